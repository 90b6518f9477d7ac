from ovlo import drawing


def stall(nib, x, colour):
    nib.travel_to(x, 0)
    nib.rectangle(90, 60, fill="wheat")
    nib.travel_to(x, 40)
    nib.rectangle(100, 20, fill=colour)


@drawing(width=480, height=200)
def market(nib):
    stall(nib, -150, "tomato")
    stall(nib, -20, "gold")  # wrong (uneven-numbers): stall(nib, 0, "gold")
    stall(nib, 150, "teal")
