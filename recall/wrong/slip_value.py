from ovlo import drawing


@drawing
def jetty(nib, planks: int = 6):
    gap = 24  # wrong (unused-value): gap = 20
    for plank in range(planks):
        nib.travel_to(-100 + 20 * plank, -40)  # wrong (unused-value): nib.travel_to(-100 + gap * plank, -40)
        nib.rectangle(12, 80, fill="peru")
