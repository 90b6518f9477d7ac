from ovlo import drawing


@drawing
def arc_of_letters(nib):
    nib.travel_to(-150, 0)
    nib.turn_to(60)
    for letter in "KITE DAY":
        nib.text(letter, size=30)
        with nib.lifted():
            nib.arc_right(160, 15)
