// What a person does to a job beyond editing it: readings and holds handed over, calls settled, certificates signed.
import { type Ref, watch } from 'vue'

import { answer, api } from '../api/client'
import type { Call, IssueState, Job, JobState, NamedAct, Reading, Signature, Step } from '../api/types'
import { useOutbox } from '../device/outbox'
import { drawAhead, wordFor } from '../device/words'
import { untilIssued } from './untilIssued'

interface Acted {
  id: Ref<number>
  version: Ref<number>
  job: Ref<Job | undefined>
  toldSteps: Ref<readonly Step[] | undefined>
  isSaved: Ref<boolean>
  flush: () => Promise<unknown>
  act: (words: string, ask: (headers: { 'If-Match': string }) => Promise<JobState>) => Promise<void>
  load: (id: number) => Promise<void>
  /** Tell undo of an act that is only followed. */
  follow: (words: string, step?: string) => void
}

const SIGNATURE: NamedAct = { kind: 'signature', about: 'certificate' }

export function useActs({ id, version, job, toldSteps, isSaved, flush, act, load, follow }: Acted) {
  const outbox = useOutbox()
  const hold = (one: { step: string; subject: string }): NamedAct => ({
    kind: 'hold',
    about: `${one.step}/${one.subject}`,
  })
  const holds = () => (toldSteps.value ?? []).filter((one) => one.kind === 'hold')

  // A hold may be signed where no network is: its word is drawn while there is one.
  watch([toldSteps, outbox.isAway], () => void drawAhead(id.value, holds().map(hold)))

  /** Keep a reading on this device and send it; refused at once, it is told and not kept. A hold is signed so too. */
  async function takeReading(reading: Reading) {
    const isHold = holds().some((one) => one.step === reading.step)
    const word = isHold ? await wordFor(id.value, hold(reading)) : undefined
    const handed = await outbox.hand({ job: id.value, reading, word })
    const step = toldSteps.value?.find((one) => one.step === reading.step && one.subject === reading.subject)
    if (step) follow(`${step.title}, ${isHold ? 'signed' : 'a reading'}`, `${step.stage} ${step.step}/${step.subject}`)
    return handed
  }

  /** Settle what is your call; what it rests on is read from the job as it is saved. */
  const settleCall = (call: Call) =>
    act('your call, with its reason', async () => {
      const word = await wordFor(id.value, { kind: 'call', about: call.finding })
      const params = { path: { job_id: id.value }, header: { 'Fulmen-Word': word } }
      return answer<JobState>(api.POST('/api/v1/jobs/{job_id}/calls', { params, body: call }))
    })

  /** Signs, asks for the certificate and waits for its turn; `told` hears how it stands. */
  async function issue(signatures: Signature[], told: (state: IssueState) => void): Promise<void> {
    await flush()
    if (!isSaved.value) throw new Error('What you typed is not saved yet. Mend that first, then issue.')
    const word = await wordFor(id.value, SIGNATURE)
    const header = { 'If-Match': String(version.value), 'Fulmen-Word': word }
    const params = { path: { job_id: id.value }, header }
    // With what this screen shows: the server compares it with what it has, and issues only its own.
    const body = { job: job.value!, signatures, revision: null }
    const asked = api.POST('/api/v1/jobs/{job_id}/papers', { params, body })
    await untilIssued(await answer<IssueState>(asked), told)
    follow('the certificate, issued')
    await load(id.value)
  }

  return { takeReading, settleCall, issue }
}
