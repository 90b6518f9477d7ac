from ovlo import Sheet

sheet = Sheet(320, 320)
nib = sheet.new_nib()
nib.line_width = 3
nib.circle(110, fill="ivory")
nib.line_to(-80, -20)  # wrong (line-to-figure): nib.travel_to(-80, -20)
nib.turn_to(80)
nib.arc_right(80, 140)
nib.travel_to(0, -60)
nib.turn_to(0)
nib.text("bar", size=20, align="middle")
