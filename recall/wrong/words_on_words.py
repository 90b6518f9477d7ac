from ovlo import drawing


@drawing(width=400, height=200)
def harbour_board(nib):
    nib.travel_to(-150, 40)
    for words in ("Regatta at ten", "Kites at noon", "Supper at six"):
        nib.text(words, size=24)
        nib.travel_by(0, -10)  # wrong (words-on-words): nib.travel_by(0, -40)
