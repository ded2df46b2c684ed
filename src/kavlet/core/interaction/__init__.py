"""What touching a chart means: the parts it has, what can be set of each, what dragging one does. No Qt."""
