/** The text that the system shows when it asks for permission to track. */
export const trackingKey = 'NSUserTrackingUsageDescription';
