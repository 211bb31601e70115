"""The arithmetic of cables, loops, faults and electrodes, without a job around it."""
