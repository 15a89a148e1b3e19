import type { StepBody } from './visit-step.js';

const inWords = (code: string) => code.replaceAll('-', ' ');

/** What a step says, in a line of a logbook. */
export function sayStep(body: StepBody): string {
  switch (body.kind) {
    case 'isolate': {
      const reading = body.pressureBar === undefined ? '' : `, ${body.pressureBar} bar`;
      const proved = body.provedBy === undefined ? '' : `; ${body.provedBy}`;
      return `${body.confirmed ? 'Isolated' : 'Isolation taken back'}: ${inWords(body.step)}${reading}${proved}`;
    }
    case 'task': {
      const said = { done: 'Done', 'not-done': 'Not done', open: 'Taken back' }[body.outcome];
      return `${said}: ${inWords(body.task)}${body.reason === undefined ? '' : `. ${body.reason}`}`;
    }
    case 'station':
      return `All as expected: ${inWords(body.station)} (${body.tasks.map(inWords).join(', ')})`;
    case 'measure':
      return `Measured: ${inWords(body.check)}`;
    case 'skip':
      return `Not measured: ${inWords(body.check)}. ${body.reason}`;
    case 'part':
      return `${body.count < 0 ? 'Not used after all' : 'Used'}: ${Math.abs(body.count)} × ${body.name}`;
    case 'photo':
      return `Photo${body.caption === undefined ? '' : `: ${body.caption}`}`;
    case 'note':
      return `Note: ${body.text}`;
    case 'fault':
      return `Found: ${body.found}`;
    case 'restart':
      return 'Started again';
    case 'tight':
      return body.tight
        ? 'Joints tight under pressure'
        : `It leaks${body.words === undefined ? '' : `: ${body.words}`}`;
    case 'close':
      return `Closed without proof: ${inWords(body.task)}. ${body.reason}`;
    case 'plan':
      return `Planned: ${body.tasks.map(inWords).join(', ')}`;
    case 'hours':
      return `Hours read: ${body.hours} h`;
    case 'sign':
      return `Signed for by ${body.name}`;
    case 'leave':
      return `Left for another day: ${body.reason}`;
  }
}
