//! What Java and Kotlin share: the libraries of their virtual machine.

pub(super) mod java_time;
