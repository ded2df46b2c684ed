"""Bodies in space: meshes, the camera that turns and projects them, light, and the order they are painted in.

Model space is right-handed: x right, y up, z toward the reader, in points. A chart's point (x, y) with y downward is
the model's (x, -y, z).
"""
