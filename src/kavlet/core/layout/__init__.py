"""From a chart's specification and its values to a layout, a figure and a scene."""
