from ovlo import Sheet

sheet = Sheet(480, 240, paper="azure")
nib = sheet.new_nib()


def flag(x, y, ground, colour):
    nib.travel_to(x, y)
    nib.rectangle(100, 70, anchor="corner", fill=ground)
    nib.travel_to(x + 40, y)
    nib.rectangle(20, 70, anchor="corner", fill=colour, outline=False)
    nib.travel_to(x, y + 25)
    nib.rectangle(100, 20, fill=colour)  # wrong (left-out-word): nib.rectangle(100, 20, anchor="corner", fill=colour)
    nib.travel_to(x - 4, y - 40)
    nib.rectangle(4, 120, anchor="corner", fill="saddlebrown")


flag(-180, -30, "white", "royalblue")
flag(60, -30, "gold", "crimson")
