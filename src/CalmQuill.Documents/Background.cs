using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;

namespace CalmQuill.Documents;

/// <summary>What a paper of one's own is made of: a picture, or a page as it was when it was taken.</summary>
public abstract record Background
{
    private Background() { }

    /// <param name="Bytes">A JPEG or PNG file.</param>
    /// <param name="Type">Its media type.</param>
    /// <param name="Width">Pixels.</param>
    /// <param name="Height">Pixels.</param>
    public sealed record Picture(byte[] Bytes, string Type, int Width, int Height) : Background;

    public sealed record Frozen(PageDocument Page, Paper Paper) : Background;
}
