from ovlo import drawing


@drawing(width=520, height=320)
def tides(nib, days=28, cell=60):
    """Four weeks, a square for each day."""
    for day in range(days):
        x = -180 + (day % 6) * cell  # wrong (unlike-remainders): x = -180 + (day % 7) * cell
        y = 110 - (day // 7) * cell
        nib.travel_to(x, y)
        nib.rectangle(cell, cell, fill="azure")
        nib.text(str(day + 1), size=16, align="middle", baseline="middle")
