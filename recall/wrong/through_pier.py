from ovlo import Sheet

sheet = Sheet(640, 240)
nib = sheet.new_nib(-260, 0)
nib.line_width = 3
for _ in range(12):
    nib.forward(20)
    nib.circle(4, fill="white")
    nib.travel(20)
nib.line_by(-220, -80)  # wrong (line-through-words): nib.travel_by(-220, -80)
nib.turn_to(0)
nib.text("Old pier", size=30, align="middle")
