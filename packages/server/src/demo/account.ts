/** The account of the demo, shown on the sign-in page. It exists only in demo mode. */
export const DEMO_ACCOUNT = { email: 'wilma@marsh-post.example', password: 'lily-pad-lantern', name: 'Wilma Reed' }
