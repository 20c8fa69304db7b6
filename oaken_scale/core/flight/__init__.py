"""What the masses mean in the air: centre of gravity, the metrics and their verdicts, what to weigh
next."""
