"""Plain charts: a chart in the terms that open office standards know, alive in a workbook of its own."""
