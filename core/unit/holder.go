package unit

// HandedTo reports that a job was handed to somebody who has not said yet that he read what is half done.
func HandedTo(who, heldBy, halfDone string) bool { return who == heldBy && halfDone != "" }

// ToTell reports that whoever runs the machine is to be told the day that was promised: he was told another one, or
// none while the machine stands.
func ToTell(promised, told Date, stands bool) bool {
	return promised != "" && told != promised && (told != "" || stands)
}
