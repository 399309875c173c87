using QRCoder;

namespace CalmQuill.Server;

/// <summary>Square codes (ISO/IEC 18004), for cameras.</summary>
internal static class SquareCode
{
    /// <summary>The rows of a text's code with its quiet edge, each a text of <c>1</c> for dark and <c>0</c> for light.</summary>
    public static string[] Of(string text)
    {
        using var code = QRCodeGenerator.GenerateQrCode(text, QRCodeGenerator.ECCLevel.M);
        return [.. code.ModuleMatrix.Select(row => string.Concat(row.Cast<bool>().Select(dark => dark ? '1' : '0')))];
    }
}
