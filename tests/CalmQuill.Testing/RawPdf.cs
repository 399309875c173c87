using System.Globalization;
using System.Text;

namespace CalmQuill.Testing;

/// <summary>A PDF file written object by object, so that it can say what no maker would.</summary>
public sealed class RawPdf
{
    private readonly SortedDictionary<int, string> objects = [];

    /// <summary>An object, without its number.</summary>
    public string this[int number]
    {
        set => objects[number] = value;
    }

    /// <summary>A stream object, its bytes as they are.</summary>
    public static string Stream(string entries, string content) =>
        $"<< {entries} /Length {Encoding.Latin1.GetByteCount(content)} >>\nstream\n{content}\nendstream";

    /// <summary>One page of 200 by 100 points, with a drawing that no turning leaves as it was, a word, and what is said of it besides.</summary>
    /// <param name="page">Entries of the page.</param>
    public static RawPdf Of(string page) =>
        new()
        {
            [1] = "<< /Type /Catalog /Pages 2 0 R >>",
            // Size and resources are taken over from above.
            [2] = "<< /Type /Pages /Kids [3 0 R] /Count 1 /MediaBox [0 0 200 100] /Resources << /Font << /F1 5 0 R >> >> >>",
            [3] = $"<< /Type /Page /Parent 2 0 R /Contents 4 0 R {page} >>",
            [4] = Stream("", Drawing),
            [5] = "<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica /Encoding /WinAnsiEncoding >>",
        };

    public const string Drawing =
        "0.1 0.3 0.6 rg 10 10 60 20 re f 0.7 0.2 0.1 rg 10 30 15 50 re f 0 0 0 rg BT /F1 14 Tf 40 60 Td (pallet) Tj ET 2 w 190 5 m 150 95 l S\n";

    public byte[] Bytes(string trailer = "")
    {
        var text = new StringBuilder("%PDF-1.7\n");
        var places = new Dictionary<int, int>();
        foreach (var (number, body) in objects)
        {
            places[number] = text.Length;
            text.Append(CultureInfo.InvariantCulture, $"{number} 0 obj\n{body}\nendobj\n");
        }

        var table = text.Length;
        var size = objects.Keys.Max() + 1;
        text.Append(CultureInfo.InvariantCulture, $"xref\n0 {size}\n0000000000 65535 f \n");
        for (var number = 1; number < size; number++)
            text.Append(
                places.TryGetValue(number, out var at)
                    ? string.Create(CultureInfo.InvariantCulture, $"{at:D10} 00000 n \n")
                    : "0000000000 65535 f \n"
            );
        text.Append(CultureInfo.InvariantCulture, $"trailer\n<< /Size {size} /Root 1 0 R {trailer} >>\nstartxref\n{table}\n%%EOF\n");
        return Encoding.Latin1.GetBytes(text.ToString());
    }
}
