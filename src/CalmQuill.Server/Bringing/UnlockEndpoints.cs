using CalmQuill.Documents;
using CalmQuill.Documents.Pdf;
using CalmQuill.Server.Limits;

namespace CalmQuill.Server.Bringing;

/// <summary>Takes the protection off a file for whoever knows its password, so that its pages can be shown and printed like any others. Nothing of it is kept.</summary>
internal static class UnlockEndpoints
{
    /// <summary>So long a password is at most, characters.</summary>
    private const int MostPassword = 400;

    public static void MapUnlocking(this IEndpointRouteBuilder api, QuillLimits limits) =>
        api.MapPost("/unlocked-files", Unlock).RequireAuthorization().Takes(limits.BytesOfAnAsset + MostPassword * 4).TakesWork();

    /// <param name="http">Its body: the length of the password in two bytes, lowest first, the password in UTF-8, and the file.</param>
    /// <param name="cancel">Gives up.</param>
    private static async Task<IResult> Unlock(HttpContext http, CancellationToken cancel)
    {
        using var body = new MemoryStream();
        await http.Request.Body.CopyToAsync(body, cancel);
        var bytes = body.GetBuffer().AsSpan(0, (int)body.Length);
        if (bytes.Length < 2 || bytes[0] + 256 * bytes[1] is var length && (length > MostPassword * 4 || bytes.Length < 2 + length))
            return Problems.BadInput($"A protected file comes with its password. Nothing was kept.");
        var password = System.Text.Encoding.UTF8.GetString(bytes.Slice(2, length));
        try
        {
            return PdfUnlocked.Write(bytes[(2 + length)..].ToArray(), password) is { } unlocked
                ? Results.Bytes(unlocked, "application/pdf")
                : Problems.BadInput($"This file could not be opened with this password. Nothing was kept.");
        }
        catch (PrintBudgetException)
        {
            return Problems.BadInput($"There is too much in this file. Nothing was kept.");
        }
    }
}
