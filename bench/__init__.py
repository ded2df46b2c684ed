"""What is measured, each as a ratio within one run."""
