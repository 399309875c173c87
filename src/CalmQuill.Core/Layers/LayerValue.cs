namespace CalmQuill.Core.Layers;

/// <summary>One field of a layer and what is written into it; empty is what it was at first.</summary>
public readonly record struct LayerValue(LayerField Field, string Value);
