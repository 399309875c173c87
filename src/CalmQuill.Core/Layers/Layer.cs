namespace CalmQuill.Core.Layers;

/// <summary>A layer of a page as it stands.</summary>
/// <param name="Id">Its id; <see cref="Guid.Empty"/> for the one that every page has.</param>
/// <param name="Name">Its name; empty where nobody gave it one.</param>
/// <param name="Order">Its place from the back.</param>
/// <param name="Hidden">Whether it is not shown.</param>
/// <param name="Locked">Whether nothing on it can be changed.</param>
/// <param name="Opacity">1 to 100.</param>
/// <param name="Author">Who made it; empty for the one that every page has.</param>
public sealed record Layer(Guid Id, string Name, string Order, bool Hidden, bool Locked, int Opacity, Guid Author)
{
    /// <summary>Where the layer that every page has stands at first.</summary>
    public const string FirstOrder = "V";

    public static readonly Layer First = new(Guid.Empty, "", FirstOrder, false, false, 100, Guid.Empty);
}
