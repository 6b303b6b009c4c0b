'use client';
import { AudioInput } from '@/audio/input/audioInput';
import type { Space } from '@/server/audio';
import type { Trash } from '@/server/trash';
import { useEffect, useState } from 'react';
import { Shell } from '../shell/Shell';
import { About } from './About';
import { BackupSection } from './BackupSection';
import { DeleteEverything } from './DeleteEverything';
import { AllKeys } from './AllKeys';
import { GuitarFields } from './GuitarFields';
import { KeysAndPedal } from './KeysAndPedal';
import { LatencySection } from './LatencySection';
import { SpaceSection } from './SpaceSection';
import { TrashSection } from './TrashSection';
import type { BackupListing } from './useBackups';
import { Section, Sound, Tuner, Takes, Look, CautionWords } from './OwnSections';

type Props = {
  keepDays: number | null;
  space: Space;
  trash: Trash;
  /** Null where the database is on another machine. */
  backups: BackupListing | null;
  /** What has to be typed before everything is deleted. */
  deleteWords: string;
  version: string;
};

/** Devices, latency, tuner, keys and what is kept: everything as you go, nothing to save. */
export function SettingsScreen({ keepDays, space, trash, backups, deleteWords, version }: Props) {
  const [rig] = useState(() => new AudioInput());
  useEffect(() => () => void rig.close(), [rig]);
  return (
    <Shell
      place="Settings"
      footer={
        <>
          <span>Saved at once, on this computer.</span>
          <span className="sm:ml-auto">Sound never leaves it.</span>
        </>
      }
    >
      <h1 className="sr-only">Settings</h1>
      <div className="mx-4 grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-6 pt-4 pb-8 sm:mx-8 md:grid-cols-2 lg:grid-cols-3">
        <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-y-6">
          <Section name="Sound">
            <Sound rig={rig} />
          </Section>
          <Section name="Latency">
            <LatencySection rig={rig} />
          </Section>
          <Section name="Look">
            <Look />
          </Section>
          <Section name="Backup">
            {backups ? (
              <BackupSection listing={backups} />
            ) : (
              <p className="leading-6 text-soft">
                The database lies on another machine: wander backup copies it to a file here.
              </p>
            )}
          </Section>
        </div>
        <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-y-6">
          <Section name="Tuner">
            <Tuner rig={rig} />
          </Section>
          <Section name="Guitar">
            <GuitarFields />
          </Section>
          <Section name="Space">
            <SpaceSection keepDays={keepDays} space={space} />
          </Section>
          <Section name="Trash">
            <TrashSection trash={trash} />
          </Section>
        </div>
        <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-y-6">
          <Section name="Pedal and keys">
            <KeysAndPedal />
          </Section>
          <Section name="Takes">
            <Takes />
          </Section>
          <Section name="Cautions">
            <CautionWords />
          </Section>
          <Section name="Delete everything">
            <DeleteEverything words={deleteWords} />
          </Section>
        </div>
        <div id="keys" className="min-w-0 scroll-mt-4 md:col-span-2 lg:col-span-3">
          <Section name="Every key">
            <AllKeys />
          </Section>
        </div>
        <div className="md:col-span-2 lg:col-span-3">
          <Section name="About">
            <About version={version} />
          </Section>
        </div>
      </div>
    </Shell>
  );
}
