package desk

// Choice is a choice of the house style among few or many, each shown as what it does.
type Choice struct {
	ID, Label       string
	Op, Token, Name string // what it sets: of the house style behind "house:", as edit.HouseCommand has them
	Find            bool   // there are so many that they are searched
	Aside           bool   // few stand side by side
	Offers          []Offer
}

type Offer struct {
	Label, Value      string
	Paint, Font, Draw string  // a colour, a family, or a class of drawing
	Radius            float64 // px; of a drawn corner
	Picture           string  // address of one that shows it
	Chosen            bool
}

// Shown is the offer that is chosen.
func (v Choice) Shown() Offer {
	for _, o := range v.Offers {
		if o.Chosen {
			return o
		}
	}
	return Offer{}
}
