"""The core: from a document to a scene, without Qt and without global state."""
