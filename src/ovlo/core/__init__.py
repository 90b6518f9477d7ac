"""The computation: steering, the trail, geometry."""
