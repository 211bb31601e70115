// A certificate under way: asked after until it is issued or refused.
import { answer, api } from '../api/client'
import type { IssueState } from '../api/types'

const ASK_AGAIN_MS = 400

/** `told` hears how it stands; what refused it is thrown. */
export async function untilIssued(asked: IssueState, told: (state: IssueState) => void): Promise<void> {
  let state = asked
  while (state.state === 'waiting' || state.state === 'rendering') {
    told(state)
    await new Promise((next) => setTimeout(next, ASK_AGAIN_MS))
    const path = { issue_id: state.id }
    state = await answer<IssueState>(api.GET('/api/v1/issues/{issue_id}', { params: { path } }))
  }
  if (state.state === 'refused') throw new Error(state.refused)
}
