'use client';
import { sinceArrival } from '@/core/scheduling';
import { useCommands } from '../shell/commands/useCommands';
import { NoInput } from '../shell/NoInput';
import { changeChannel } from '../shell/openPreferred';
import { Waiting } from '../shell/Waiting';
import { drillCommands } from './drillCommands';
import { DrillSheet } from './DrillSheet';
import { LiveDrill } from './LiveDrill';
import { useDrillModel, type DrillModel, type DrillProps } from './useDrillModel';

export type { NextDrill } from './useDrillModel';

/** One drill: what to do and why, an attempt after the other, and what it came to. */
export function DrillScreen(props: DrillProps) {
  const model = useDrillModel(props);
  useCommands(drillCommands(model));
  const { scene, session } = model;
  if (scene === 'no-input') return <WithoutInput model={model} />;
  if (scene === 'waiting' && session) return <WaitingForNotes model={model} />;
  if ((scene === 'live' || scene === 'counting') && session) return <Attempt model={model} />;
  return <DrillSheet model={model} ends={props.ends} />;
}

function WithoutInput({ model }: { model: DrillModel }) {
  const { rigState, drill, start, sitting, comeInByDevice, letStandInPlay } = model;
  return (
    <NoInput
      trouble={rigState.phase === 'trouble' ? rigState.trouble : 'busy'}
      title={drill.drill.name}
      onAgain={start}
      onDevice={comeInByDevice}
      onStandIn={letStandInPlay}
      onBack={() => sitting.stay()}
    />
  );
}

function WaitingForNotes({ model: { rig, drill, sitting, session } }: { model: DrillModel }) {
  return (
    <Waiting
      rig={rig}
      title={drill.drill.name}
      onChannel={(channel) => changeChannel(rig, channel)}
      onStart={() => session?.startAllTheSame()}
      onBack={() => sitting.stay()}
    />
  );
}

function Attempt({ model }: { model: DrillModel }) {
  const { drill, stage, tries, last, rest, sitting, toTempo, session } = model;
  if (!session) return null;
  return (
    <LiveDrill
      key={session.id}
      session={session}
      stage={stage}
      ladder={drill.ladder}
      tries={tries}
      before={last}
      minutes={rest.minutes}
      attempt={sinceArrival(drill.ladder, tries).length + 1}
      title={drill.title}
      onStop={() => sitting.stay()}
      onTempo={toTempo}
    />
  );
}
