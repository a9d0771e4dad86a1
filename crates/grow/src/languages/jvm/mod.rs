//! What Java and Kotlin share: the libraries of their virtual machine.

/// The room that the fields of a class take at most: a method of the JVM has 255 places for its object and parameters
/// (JVMS 4.3.3), of which constructors that compilers make take some for themselves.
pub(super) const MOST_ROOM: usize = 240;

pub(super) mod java_time;
pub(super) mod naming;

use crate::prepare::Dependency;

const JACKSON: &str = "2.20.0";

pub(super) const JACKSON_DATABIND: Dependency =
    Dependency("com.fasterxml.jackson.core:jackson-databind", JACKSON);

pub(super) const JACKSON_DATES: Dependency =
    Dependency("com.fasterxml.jackson.datatype:jackson-datatype-jsr310", JACKSON);

pub(super) const JACKSON_KOTLIN: Dependency =
    Dependency("com.fasterxml.jackson.module:jackson-module-kotlin", JACKSON);

pub(super) const GSON: Dependency = Dependency("com.google.code.gson:gson", "2.13.1");

pub(super) const JSPECIFY: Dependency = Dependency("org.jspecify:jspecify", "1.0.0");

pub(super) const BEAN_VALIDATION: Dependency =
    Dependency("jakarta.validation:jakarta.validation-api", "3.1.0");

/// What the file of a Gradle project says of dependencies.
pub(super) fn gradle_dependencies(dependencies: &[Dependency]) -> String {
    let line = |Dependency(name, version): &Dependency| format!("    implementation(\"{name}:{version}\")\n");
    let lines: String = dependencies.iter().map(line).collect();
    format!("dependencies {{\n{lines}}}\n")
}
