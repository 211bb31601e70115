"""What a check says: findings with their workings, the register of rules, the plain words."""
