// Words are texts that stand where there is no value; the first of them is written.
type Words interface {
	Words() []string
}
