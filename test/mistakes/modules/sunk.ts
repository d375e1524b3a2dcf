throw new Error('The boat has sunk.');

export {};
