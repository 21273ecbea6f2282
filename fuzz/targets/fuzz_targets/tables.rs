#![no_main]
libfuzzer_sys::fuzz_target!(|data: &[u8]| bold_stance_fuzz::tables(data));
