using System.Globalization;
using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Changing;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Stamps;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: stamps. A stamp is a piece, as <see cref="HandBridge.Cut"/> gives one, and is kept in a file. Lengths are 0.01 mm.</summary>
public static partial class StampBridge
{
    /// <summary>A picture that becomes a stamp is so wide at most.</summary>
    private const int PictureWidth = 3_000;

    /// <summary>Things of a page as a stamp's file; throws a sentence where there is nothing, or too much.</summary>
    [JSExport]
    public static byte[] Keep(int page, string[] items) =>
        PageStamp.Of(Session.Document<PageDocument>(page), items.Select(OpId.Parse).ToHashSet());

    /// <summary>A picture as a stamp's file.</summary>
    /// <param name="asset">The picture: an asset's id.</param>
    /// <param name="width">How wide it is, pixels.</param>
    /// <param name="height">How high it is.</param>
    [JSExport]
    public static byte[] OfPicture(string asset, int width, int height)
    {
        var piece = new Piece();
        piece.Add(
            new Change.ThingAdded(
                ThingKind.Picture,
                Transform.Identity,
                PictureWidth,
                Math.Max((int)((long)PictureWidth * height / Math.Max(width, 1)), ThingRules.LeastSide),
                new Passage("", []),
                [new ItemValue(ItemField.Source, asset)]
            )
        );
        return PageStamp.File(OperationCodec.Encode(piece.Operations));
    }

    /// <summary>The piece in a stamp's file; empty where it is none.</summary>
    [JSExport]
    public static byte[] Read(byte[] file) => PageStamp.Read(file) ?? [];

    /// <summary>The names of the stamps that ship, each with its category before a stroke.</summary>
    [JSExport]
    public static string[] Shipped() => [.. ShippedStamps.Names];

    /// <summary>The piece of one of them; empty where none has that name.</summary>
    [JSExport]
    public static byte[] ShippedPiece(string name) => ShippedStamps.Piece(name) ?? [];

    /// <summary>A stamp around a spot, as wide as is wished (0 for as it was kept), of one colour (<c>rrggbb</c>) or its own: a piece.</summary>
    [JSExport]
    public static byte[] Placed(byte[] piece, double x, double y, int width, string colour) =>
        PageStamp.Placed(
            piece,
            x,
            y,
            width,
            colour.Length == 0 ? null : (uint.Parse(colour, NumberStyles.HexNumber, CultureInfo.InvariantCulture) << 8) | 0xFF
        );

    /// <summary>What a piece looks like, as a render packet.</summary>
    [JSExport]
    public static byte[] Face(byte[] piece) =>
        RenderPacket.Of([.. Cutting.Open(piece).Items.Where(item => item.Shown)], item => item.Visible());
}
