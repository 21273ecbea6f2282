//! The ordered work steps of a setting and the gates between them.
