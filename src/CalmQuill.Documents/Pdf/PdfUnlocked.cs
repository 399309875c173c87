namespace CalmQuill.Documents.Pdf;

/// <summary>A PDF file that was protected, without its protection.</summary>
public static class PdfUnlocked
{
    /// <summary>All that the file leads to from its catalogue, written anew and readable by everybody who has it; null where the password is not its own, or it cannot be read.</summary>
    /// <exception cref="PrintBudgetException">It is too much for one file.</exception>
    public static byte[]? Write(byte[] file, string password)
    {
        using var source = PdfSource.Open(file, password);
        return source is { Count: > 0 } ? PdfSource.Tried(() => Copied(source)) : null;
    }

    private static byte[] Copied(PdfSource source)
    {
        var made = new PdfFile();
        var copy = new PdfCopy(source, made);
        var catalogue = made.Add(copy.Text(source.Catalogue));
        copy.Finish();
        return made.Finish(catalogue, made.Add("<< /Producer (Calm Quill) >>"));
    }
}
