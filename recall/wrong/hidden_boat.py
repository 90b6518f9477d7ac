from ovlo import drawing


@drawing(paper="lightblue")
def harbour(nib):
    nib.circle(40, fill="gold")  # wrong (covered): nib.travel_to(0, 60); nib.circle(40, fill="gold"); nib.travel_to(0, 0)
    nib.travel_to(0, -20)
    nib.rectangle(640, 200, fill="seagreen")
