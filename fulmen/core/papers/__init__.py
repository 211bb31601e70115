"""What the papers of a job state, worked out once when a paper is wished for: papers only set it in type."""
