"""Would it be refused, and does it look bad: findings with figures and repairs."""
