from ovlo import Sheet

sheet = Sheet(500, 300, paper="beige")
nib = sheet.new_nib()
nib.arc_left(60, 200)
nib.travel_to(0, -120)  # wrong (left-over-heading): nib.travel_to(0, -120); nib.turn_to(0)
nib.text("half a moon, and a bit", align="middle")
