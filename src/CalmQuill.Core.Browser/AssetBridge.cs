using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Assets;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: what files are called, and what may be kept of them.</summary>
public static partial class AssetBridge
{
    /// <summary>The id of a file by its SHA-256.</summary>
    [JSExport]
    public static string IdOf(byte[] digest) => AssetId.OfDigest(digest).ToString();

    /// <summary>What a file is: <c>{ type, width, height, turned, problem }</c>; the problem a sentence, or empty where it may be kept.</summary>
    [JSExport]
    public static string Look(byte[] file)
    {
        var type = FileType.Of(file);
        return Json.Text(json =>
        {
            json.WriteStartObject();
            json.WriteString("type", type.MediaType);
            json.WriteNumber("width", type.Width);
            json.WriteNumber("height", type.Height);
            json.WriteBoolean("turned", type.MediaType == FileType.Jpeg && JpegFile.Orientation(file) != 1);
            json.WriteString("problem", type.Problem(file)?.Told ?? "");
            json.WriteEndObject();
        });
    }

    /// <summary>A picture without what it says of where, when and with what it was taken. What is no whole picture comes back as it is.</summary>
    [JSExport]
    public static byte[] Cleaned(byte[] file) => FileType.Of(file).Cleaned(file);

    /// <summary>A page as it now is, as a file to lie under others; empty where it lies on a paper of one's own itself.</summary>
    [JSExport]
    public static byte[] Freeze(int page, string paper) =>
        Paper.ParseOrDefault(paper).Own == Guid.Empty ? FrozenPage.Write(Session.Document<PageDocument>(page), paper) : [];
}
