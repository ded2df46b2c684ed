"""Frozen specifications of charts: frames, scales, layers, labels, legend, texts. They draw nothing."""
