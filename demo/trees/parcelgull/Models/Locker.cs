namespace Saltmarsh.Parcelgull.Models;

/// <summary>A locker, and the parcel that waits in it.</summary>
public sealed record Locker(string Name, string Street, string? Parcel)
{
	public bool HasParcel => Parcel is not null;
}
