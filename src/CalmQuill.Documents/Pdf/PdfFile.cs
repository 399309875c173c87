using System.Globalization;
using System.IO.Compression;
using System.Text;

namespace CalmQuill.Documents.Pdf;

/// <summary>The frame of a PDF file (ISO 32000-1 §7.5): numbered objects, their table, and the trailer.</summary>
internal sealed class PdfFile
{
    private readonly MemoryStream file = new();
    private readonly List<long> offsets = [];

    public PdfFile() => Ascii("%PDF-1.7\n%\u00e2\u00e3\u00cf\u00d3\n");

    /// <summary>How many bytes are written so far.</summary>
    public long Length => file.Length;

    /// <summary>Sets a number aside for an object that is written later but named before.</summary>
    public int Reserve()
    {
        offsets.Add(0);
        return offsets.Count;
    }

    public int Add(string body)
    {
        var number = Reserve();
        Put(number, body);
        return number;
    }

    public void Put(int number, string body)
    {
        offsets[number - 1] = file.Position;
        Ascii(string.Create(CultureInfo.InvariantCulture, $"{number} 0 obj\n{body}\nendobj\n"));
    }

    /// <summary>A stream object, compressed by FlateDecode (§7.4.4).</summary>
    public int AddStream(byte[] content) => AddStream(content, "", CompressionLevel.Optimal);

    /// <param name="content">The stream's bytes, not compressed.</param>
    /// <param name="entries">Further entries of its dictionary.</param>
    /// <param name="level">How much time is spent on making it small.</param>
    public int AddStream(byte[] content, string entries, CompressionLevel level)
    {
        using var packed = new MemoryStream();
        using (var deflate = new ZLibStream(packed, level, leaveOpen: true))
            deflate.Write(content);
        var number = Reserve();
        PutStream(number, packed.GetBuffer().AsSpan(0, (int)packed.Length), $"{entries} /Filter /FlateDecode");
        return number;
    }

    /// <summary>A stream as it is, whatever its entries say it is packed by.</summary>
    public void PutStream(int number, ReadOnlySpan<byte> content, string entries)
    {
        offsets[number - 1] = file.Position;
        Ascii(string.Create(CultureInfo.InvariantCulture, $"{number} 0 obj\n<< {entries} /Length {content.Length} >>\nstream\n"));
        file.Write(content);
        Ascii("\nendstream\nendobj\n");
    }

    /// <summary>A JPEG file of three channels as a picture (§8.9, §7.4.8) whose values are changed along a straight line (§8.9.5.2).</summary>
    public int AddJpeg(byte[] bytes, int width, int height, string decode)
    {
        var number = Reserve();
        PutStream(
            number,
            bytes,
            string.Create(
                CultureInfo.InvariantCulture,
                $"/Type /XObject /Subtype /Image /Width {width} /Height {height} /ColorSpace /DeviceRGB /BitsPerComponent 8{decode} /Filter /DCTDecode"
            )
        );
        return number;
    }

    /// <summary>The picture of a paper of one's own.</summary>
    public int AddPicture(Background.Picture picture) => AddJpeg(picture.Bytes, picture.Width, picture.Height, "");

    public byte[] Finish(int catalogue, int info)
    {
        var table = file.Position;
        var text = new StringBuilder();
        text.Append(CultureInfo.InvariantCulture, $"xref\n0 {offsets.Count + 1}\n0000000000 65535 f \n");
        foreach (var offset in offsets)
            text.Append(CultureInfo.InvariantCulture, $"{offset:D10} 00000 n \n");
        text.Append(
            CultureInfo.InvariantCulture,
            $"trailer\n<< /Size {offsets.Count + 1} /Root {catalogue} 0 R /Info {info} 0 R >>\nstartxref\n{table}\n%%EOF\n"
        );
        Ascii(text.ToString());
        return file.ToArray();
    }

    /// <summary>A text string in UTF-16 with a byte order mark, in hexadecimal (§7.9.2.2).</summary>
    public static string Text(string text) => "<FEFF" + Convert.ToHexString(Encoding.BigEndianUnicode.GetBytes(text)) + ">";

    /// <summary>A byte string in hexadecimal (§7.3.4.3).</summary>
    public static string Bytes(string text) => "<" + Convert.ToHexString(Encoding.UTF8.GetBytes(text)) + ">";

    private void Ascii(string text) => file.Write(Encoding.Latin1.GetBytes(text));
}
