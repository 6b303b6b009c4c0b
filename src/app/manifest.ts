import type { MetadataRoute } from 'next';

/** What a browser needs to install the application: its name, its window, its icons. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    name: 'Idle Wander',
    short_name: 'Idle Wander',
    description: 'Hear what your solo did to the chords.',
    id: '/',
    start_url: '/',
    display: 'standalone',
    background_color: '#12191b',
    theme_color: '#12191b',
    icons: [
      { src: '/icons/192.png', sizes: '192x192', type: 'image/png' },
      { src: '/icons/512.png', sizes: '512x512', type: 'image/png' },
      { src: '/icons/maskable.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
    ],
    shortcuts: [
      { name: 'Record', url: '/record' },
      { name: 'Drills', url: '/drills' },
    ],
  };
}
