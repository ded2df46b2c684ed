"""Charts and pages in open office formats: ISO/IEC 29500 (XLSX, PPTX, DOCX) and ISO/IEC 26300 (ODS, ODP, ODT)."""
