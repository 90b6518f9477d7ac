from ovlo import drawing


@drawing(width=400, height=200, paper="tan")
def prices(nib):
    for i, (name, price) in enumerate([("kites", 25), ("string", 4), ("buns", 2)]):
        nib.travel_to(-130 + 130 * i, 0)
        nib.rectangle(110, 60, fill="lightyellow")
        nib.travel_by(0, 6)
        nib.text(name, size=16, align="middle")
        nib.travel_by(0, -24)
        nib.text("{price} €", size=14, align="middle")  # wrong (missing-f): nib.text(f"{price} €", size=14, align="middle")
