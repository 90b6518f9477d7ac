from ovlo import Sheet

sheet = Sheet(640, 200)
nib = sheet.new_nib(-240, 0)
for number in range(6):
    nib.ink = "black"
    nib.rectangle(60, 40, fill="ivory")
    nib.ink = "white"  # wrong (no-contrast): nib.ink = "black"
    nib.text(f"pier {number + 1}", size=14, align="middle", baseline="middle")
    nib.travel_by(90, 0)
