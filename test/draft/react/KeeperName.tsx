import { useKeeper } from './keeper';

export const KeeperName = () => <p>Signed in as {useKeeper().name}</p>;
