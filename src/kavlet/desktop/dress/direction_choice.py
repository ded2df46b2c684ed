"""Which way a chart's figures may run, as it is chosen from."""

from kavlet.core.messages import say

DOWN, ACROSS = "down", "across"
READINGS = ((DOWN, say("down columns")), (ACROSS, say("across a row")))
