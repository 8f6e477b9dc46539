import { lazy, Suspense, type ReactNode } from 'react';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { useProjects, useSession } from './data/session.ts';
import { Projects } from './people/Projects.tsx';
import { SignIn } from './people/SignIn.tsx';

const Join = lazy(() => import('./people/Join.tsx').then((file) => ({ default: file.Join })));
const NewPassword = lazy(() =>
  import('./people/NewPassword.tsx').then((file) => ({ default: file.NewPassword })),
);

const ProjectPage = lazy(() => import('./frame/ProjectPage.tsx'));
const StartSection = lazy(() => import('./start/StartSection.tsx'));
const PlacesSection = lazy(() => import('./places/PlacesSection.tsx'));
const CatalogueSection = lazy(() => import('./catalogue/CatalogueSection.tsx'));
const EquipmentSection = lazy(() => import('./racks/equipment/EquipmentSection.tsx'));
const CablesSection = lazy(() => import('./cabling/CablesSection.tsx'));
const VlansSection = lazy(() => import('./switching/VlansSection.tsx'));
const AddressesSection = lazy(() => import('./addressing/AddressesSection.tsx'));
const CloudSection = lazy(() => import('./cloud/CloudSection.tsx'));
const SheetsSection = lazy(() => import('./sheets/SheetsSection.tsx'));
const ByCode = lazy(() => import('./frame/ByCode.tsx'));
const ReviewSection = lazy(() => import('./review/ReviewSection.tsx'));
const SchedulesSection = lazy(() => import('./reports/SchedulesSection.tsx'));
const PartsSection = lazy(() => import('./purchase/PartsSection.tsx'));

/** Goes straight into the only project; with none or several, asks. */
function Home(): ReactNode {
  const projects = useProjects();
  if (projects.isPending) return null;
  const [only, ...others] = projects.data?.filter(({ standing }) => standing === 'active') ?? [];
  return only !== undefined && others.length === 0 ? (
    <Navigate to={`/p/${only.id}/start`} replace />
  ) : (
    <Projects />
  );
}

// Built away where the application is built.
const KitPage = import.meta.env.DEV ? lazy(() => import('./kit/KitPage.tsx')) : null;

export function App(): ReactNode {
  if (KitPage !== null && location.pathname === '/kit')
    return (
      <Suspense fallback={null}>
        <KitPage />
      </Suspense>
    );
  // Links that are handed on: they work whoever is signed in, and nobody need be.
  if (location.pathname === '/join' || location.pathname === '/reset')
    return <Suspense fallback={null}>{location.pathname === '/join' ? <Join /> : <NewPassword />}</Suspense>;
  return <SignedIn />;
}

function SignedIn(): ReactNode {
  const session = useSession();
  if (session.isPending) return null;
  if (!session.data?.account)
    return <SignIn firstStart={session.data?.firstStart ?? false} unreachable={session.isError} />;
  return (
    <BrowserRouter>
      <Suspense fallback={null}>
        <Routes>
          <Route path="/" element={<Home />} />
          <Route path="/projects" element={<Projects />} />
          <Route path="/p/:project" element={<ProjectPage />}>
            <Route index element={<Navigate to="start" replace />} />
            <Route path="start" element={<StartSection />} />
            <Route path="places" element={<PlacesSection />} />
            <Route path="catalogue" element={<CatalogueSection />} />
            <Route path="equipment" element={<EquipmentSection />} />
            <Route path="cables" element={<CablesSection />} />
            <Route path="vlans" element={<VlansSection />} />
            <Route path="addresses" element={<AddressesSection />} />
            <Route path="cloud" element={<CloudSection />} />
            <Route path="sheets/:sheet?" element={<SheetsSection />} />
            <Route path="review" element={<ReviewSection />} />
            <Route path="schedules" element={<SchedulesSection />} />
            <Route path="parts" element={<PartsSection />} />
            <Route path="at/:thing" element={<ByCode />} />
            <Route path="*" element={<Navigate to="start" replace />} />
          </Route>
          <Route path="/at/:project/:thing" element={<ByCode />} />
          <Route path="*" element={<Navigate to="/" replace />} />
        </Routes>
      </Suspense>
    </BrowserRouter>
  );
}
