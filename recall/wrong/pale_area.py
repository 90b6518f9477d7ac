from ovlo import drawing


@drawing(paper="lightblue")
def cloud(nib):
    for x in (-60, 0, 60):
        nib.travel_to(x, 0)
        nib.circle(50, fill="lightblue", outline=False)  # wrong (no-contrast): nib.circle(50, fill="white", outline=False)
