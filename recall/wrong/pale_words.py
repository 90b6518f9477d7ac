from ovlo import drawing


@drawing(paper="#112233")
def title(nib):
    nib.circle(120, fill="orange")
    nib.travel_to(0, 160)
    nib.ink = "#112233"  # wrong (no-contrast): nib.ink = "white"
    nib.text("Sunset at the bay", align="middle")
