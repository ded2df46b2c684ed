"""The Start place: how to get figures, what was opened last, what a chart can answer."""
