namespace CalmQuill.Store.Assets;

/// <summary>A picture, a file, or a page frozen to be a paper, as a space keeps it.</summary>
/// <param name="Id">Its id; see <see cref="Core.Assets.AssetId"/>.</param>
/// <param name="Space">The space it belongs to.</param>
/// <param name="Type">Its media type.</param>
/// <param name="Width">Pixels; of a frozen page 0.01 mm; else 0.</param>
/// <param name="Height">See <paramref name="Width"/>.</param>
/// <param name="Bytes">What it consists of.</param>
/// <param name="MadeBy">Who brought it in first.</param>
public sealed record Asset(Guid Id, Guid Space, string Type, int Width, int Height, byte[] Bytes, Guid MadeBy);
