/** The pages of the shop itself, fetched together. */
export { Licences } from './Licences';
export { ShopPage } from './Shop';
