"""A trail as marks: outlines, their order, regions, rasters, measures, stretches."""
