package main

import "syscall"

// boundMemory ends the program where it asks for more than so many bytes.
func boundMemory(most uint64) error {
	return syscall.Setrlimit(rlimitData, &syscall.Rlimit{Cur: most, Max: most})
}

// rlimitData bounds what is written to; address space that is only reserved is not counted.
const rlimitData = 2
