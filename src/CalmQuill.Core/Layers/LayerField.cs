namespace CalmQuill.Core.Layers;

/// <summary>What is said of a layer. The numbers are part of the stored form and are never used again.</summary>
public enum LayerField : byte
{
    /// <summary>One line, at most 200 characters.</summary>
    Name = 1,

    /// <summary>Its place among the layers, from the back: an <see cref="Ordering.OrderKey"/>.</summary>
    Order = 2,

    /// <summary>“1” while it is hidden.</summary>
    Hidden = 3,

    /// <summary>“1” while nothing on it can be changed.</summary>
    Locked = 4,

    /// <summary>How strongly it is shown, 1 to 100; 100 at first.</summary>
    Opacity = 5,

    /// <summary>The layer that what lies on it belongs to now.</summary>
    MergedInto = 6,

    /// <summary>“1” once it was erased with all that lies on it.</summary>
    Erased = 7,
}
