// The stages of the work, as they are called.
export const STAGE_WORDS = {
  survey: 'Survey',
  design: 'Design',
  dead: 'Dead tests',
  live: 'Live tests',
  papers: 'Papers',
} as const
