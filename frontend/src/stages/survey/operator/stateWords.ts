// Where a matter stands with the operator, and what to do next.
import type { OperatorMatter } from '../../../api/types'

export const STATE_WORDS: Record<OperatorMatter['state'], { title: string; text: string }> = {
  not_sent: { title: 'Nothing sent yet.', text: 'Send the application, and wait for the answer.' },
  waiting: { title: 'Sent.', text: 'It is with the operator; wait for the answer.' },
  booked: { title: 'Operator’s work is booked.', text: 'Wait until it is done, then look at the supply again.' },
  more_wanted: { title: 'More is wanted.', text: 'Add what the operator asks for, and send it again.' },
  accepted: { title: 'Agreed.', text: 'The operator’s answer covers the job as it stands.' },
  out_of_date: { title: 'Out of date.', text: 'The job has changed since the last letter: send it again.' },
}
