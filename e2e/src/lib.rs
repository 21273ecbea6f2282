//! Real interface tests live in `tests/`: headless Chromium through ChromeDriver against the running binary.
