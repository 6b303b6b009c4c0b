'use client';
import { type ReactNode } from 'react';
import { useCommands } from '../shell/commands/useCommands';
import { Waiting } from '../shell/Waiting';
import { Interrupted } from './Interrupted';
import { Live } from './Live';
import { recordCommands } from './recordCommands';
import { Silent } from './Silent';
import { useSharedStage } from './useSharedStage';
import { useRecordModel, type RecordModel, type RecordProps } from './useRecordModel';
import { Working } from './Working';
import { WithoutInput, AfterTake, BeforeTake } from './RecordScenes';

/** From choosing to playing to the result and on to the next take: all of Record. */
export function RecordScreen({ isShared = false, ...props }: RecordProps & { isShared?: boolean }) {
  const model = useRecordModel(props);
  useSharedStage(model, isShared);
  const { bring, cut, back, decide, open } = model;
  useCommands(recordCommands(model));
  if (bring.state.phase === 'working') return <Working work={bring.state} onCancel={bring.cancel} />;
  if (!cut) return <Scene model={model} />;
  return (
    <Interrupted
      key={cut.id}
      take={cut}
      onKept={open}
      onGone={(id) => decide(id, true)}
      onBack={(take) => {
        decide(take.id, false);
        back(take);
      }}
      onLater={() => decide(cut.id, true)}
    />
  );
}

function Scene({ model }: { model: RecordModel }): ReactNode {
  const { sitting, rig, chart, chooseChannel, open } = model;
  const { view } = model.state;
  switch (view.scene) {
    case 'no-input':
      return <WithoutInput model={model} />;
    case 'waiting':
      return (
        <Waiting
          rig={rig}
          title={chart.title}
          onChannel={chooseChannel}
          onStart={() => view.session.startAllTheSame()}
          onBack={() => void view.session.discard()}
        />
      );
    case 'silent':
      return <Silent onKeep={() => open(view.ended.id)} onThrow={() => sitting.throwAway()} />;
    case 'result':
      return <AfterTake model={model} ended={view.ended} />;
    case 'live':
      return (
        <Live
          session={view.session}
          state={model.running}
          settings={model.settings}
          rig={rig}
          title={chart.title}
          before={model.result}
        />
      );
    case 'ready':
      return <BeforeTake model={model} />;
  }
}
