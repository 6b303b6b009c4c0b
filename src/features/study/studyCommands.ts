import type { Handlers } from '../shell/commands/registry';
import type { StudyModel } from './useStudyModel';

/** What can be done in Study as it stands now. */
export function studyCommands(model: StudyModel): Handlers {
  const { dispatch, hear, cell, read } = model;
  const other = cell.reading?.runnerUp;
  return {
    'study.next': () => dispatch({ type: 'step', by: 1 }),
    'study.previous': () => dispatch({ type: 'step', by: -1 }),
    'study.positionUp': () => dispatch({ type: 'slide', by: 1 }),
    'study.positionDown': () => dispatch({ type: 'slide', by: -1 }),
    'study.hearChord': () => hear('chord'),
    'study.hearScale': () => hear('scale'),
    'study.hearThread': () => hear('thread'),
    'study.hearPlans': () => hear('plans'),
    'study.viewThread': () => dispatch({ type: 'view', view: 'thread' }),
    'study.viewPlace': () => dispatch({ type: 'view', view: 'place' }),
    'study.viewShapes': () => dispatch({ type: 'view', view: 'shapes' }),
    'study.viewGrid': () => dispatch({ type: 'view', view: 'grid' }),
    'study.layer': () => dispatch({ type: 'nextLayer' }),
    'study.record': model.record,
    'study.edit': model.edit,
    'study.otherReading': other && { run: () => read({ degree: other.degree, scale: null }) },
  };
}
