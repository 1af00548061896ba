"""usage: resample_numpy.py W1|W2|W3 smart|naive [--b 10000] [--reps 3] [--shared] [--dump out.json]
smart = batched counts, one GEMM per chunk, batched Cholesky. naive = loop, X[idx], lstsq per step.
--shared draws the indices from the same per-resample xoshiro128** streams as C/JS (for agreement checks, RNG time not representative)."""
import numpy as np, sys, time, json, os, argparse
from scipy.special import ndtr, ndtri
ap=argparse.ArgumentParser();ap.add_argument('w');ap.add_argument('mode');ap.add_argument('--b',type=int,default=10000)
ap.add_argument('--reps',type=int,default=3);ap.add_argument('--shared',action='store_true');ap.add_argument('--dump');ap.add_argument('--chunk',type=int,default=0)
ap.add_argument('--nojack',action='store_true')
A=ap.parse_args();here=os.path.dirname(os.path.abspath(__file__))
raw=open(f'{here}/data/{A.w}.bin','rb').read();h=np.frombuffer(raw[:256],'<i4')
n,p,K=int(h[0]),int(h[1]),int(h[2]);ends=[int(v) for v in h[3:3+K]];ia,ib=int(h[11]),int(h[12]);G=int(h[13]);gs=[int(v) for v in h[14:14+G]]
D=np.frombuffer(raw[256:],'<f8').reshape(n,p+1);X=D[:,:p];y=D[:,p];B=A.b;SEED=12345
U32=np.uint32
def mix(x):
    with np.errstate(over='ignore'):
        x=x.astype(U32);x^=x>>U32(16);x=x*U32(0x21f0aaad);x^=x>>U32(15);x=x*U32(0x735a2d97);x^=x>>U32(15)
    return x
def shared_idx(streams,m):           # len(streams) x m indices, one xoshiro128** stream each
    x=mix(np.asarray(streams).astype(U32)^U32(SEED));s=[mix(x+U32(((i+1)*0x9E3779B9)&0xffffffff)) for i in range(4)]
    out=np.empty((m,len(x)),np.int64);rot=lambda v,k:(v<<U32(k))|(v>>U32(32-k))
    for i in range(m):
        r=rot(s[1]*U32(5),7)*U32(9);out[i]=(r.astype(np.uint64)*np.uint64(m))>>np.uint64(32)
        t=s[1]<<U32(9);s[2]=s[2]^s[0];s[3]=s[3]^s[1];s[1]=s[1]^s[2];s[0]=s[0]^s[3];s[2]=s[2]^t;s[3]=rot(s[3],11)
    return out.T
T={}
def tick(k,t): T[k]=T.get(k,0)+time.perf_counter()-t
def stats_from_gram(C,nn):
    """C: m x q x q cross-products of [X|y]; returns m x nstats (b, beta, R2, dR2)."""
    q=p+1;L=np.linalg.cholesky(C);ly=L[:,p,:]
    b=np.linalg.solve(np.swapaxes(L[:,:p,:p],1,2),ly[:,:p,None])[:,:,0]
    rss=C[:,p,p,None]-np.cumsum(ly[:,:p]**2,1)                     # after k columns
    rss_k=np.stack([ (ly[:,e:]**2).sum(1) for e in ends],1); tss=(ly[:,1:]**2).sum(1)
    R2=1-rss_k/tss[:,None];mean=C[:,0,:]/nn
    var=(np.einsum('mii->mi',C)-nn*mean**2)/(nn-1);sd=np.sqrt(np.maximum(var,0));sy=np.sqrt(tss/(nn-1))
    return np.concatenate([b,betas(b,mean,sd,sy),R2,np.diff(R2,axis=1)],1)
def betas(b,mean,sd,sy):
    be=b[:,1:]*sd[:,1:p]/sy[:,None];bi=b[:,p-1]
    be[:,ia-1]=(b[:,ia]+bi*mean[:,ib])*sd[:,ia]/sy;be[:,ib-1]=(b[:,ib]+bi*mean[:,ia])*sd[:,ib]/sy
    be[:,p-2]=bi*sd[:,ia]*sd[:,ib]/sy
    return be
def jack(D):
    """leave-one-out, closed form"""
    n=len(D);X=D[:,:p];y=D[:,p];L=np.linalg.cholesky(D.T@D);Lx=L[:p,:p];ly=L[p,:p]
    V=np.linalg.solve(Lx,X.T);b=np.linalg.solve(Lx.T,ly)
    cv=np.cumsum(V**2,0);cf=np.cumsum(V*ly[:,None],0);R=np.empty((n,K))
    tss=(L[p,1:]**2).sum();ym=y.mean();tssj=tss-(y-ym)**2*n/(n-1)
    for k,e in enumerate(ends):
        ek=y-cf[e-1];rss=(L[p,e:]**2).sum();R[:,k]=1-(rss-ek**2/(1-cv[e-1]))/tssj
    e=y-cf[p-1];W=np.linalg.solve(Lx.T,V);bj=b-(W*(e/(1-cv[p-1]))).T
    m=D.mean(0);mj=(n*m-D)/(n-1);ss=((D-m)**2).sum(0);sdj=np.sqrt((ss-(D-m)**2*n/(n-1))/(n-2))
    return np.concatenate([bj,betas(bj,mj,sdj,sdj[:,p]),R,np.diff(R,axis=1)],1)
def accel(J,n):
    U=(n-1)*(J.mean(0)-J);return (U**3).sum(0)/n**3,(U**2).sum(0)/n**2
def bca(est,rep,a,lev=.95):
    B=len(rep);za=ndtri((1-lev)/2);prop=((rep<est).sum(0)+.5*(rep==est).sum(0))/B;z0=ndtri(prop);out=[]
    for z in(za,-za):
        al=ndtr(z0+(z0+z)/(1-a*(z0+z)));pos=al*(B-1);lo=np.floor(pos).astype(int);f=pos-lo;hi=np.minimum(lo+1,B-1)
        S=out[0][1] if out else np.sort(rep,0);c=np.arange(rep.shape[1]);out.append((S[lo,c]*(1-f)+S[hi,c]*f,S))
    return out[0][0],out[1][0]
iu=np.triu_indices(p+1)
def smart():
    T.clear();rng=np.random.default_rng(1);reps=[];ests=[];num=0;den=0;o=0;perg=[]
    for g in range(G):
        m=gs[g];Dg=D[o:o+m];o+=m;P=Dg[:,iu[0]]*Dg[:,iu[1]];ch=A.chunk or max(16,min(1000,2_000_000//m));rep=[]
        for s in range(0,B,ch):
            c=min(ch,B-s);t=time.perf_counter()
            idx=shared_idx(np.arange(s,s+c)+g*B,m) if A.shared else rng.integers(0,m,(c,m),dtype=np.int32)
            tick('rng',t);t=time.perf_counter()
            cnt=np.bincount((idx+(np.arange(c)*m)[:,None]).ravel(),minlength=c*m).reshape(c,m).astype(float)
            tick('count',t);t=time.perf_counter();F=cnt@P;tick('gemm',t);t=time.perf_counter()
            C=np.empty((c,p+1,p+1));C[:,iu[0],iu[1]]=F;C[:,iu[1],iu[0]]=F;rep.append(stats_from_gram(C,m));tick('fit',t)
        t=time.perf_counter();J=jack(Dg);est=stats_from_gram((Dg.T@Dg)[None],m)[0];tick('jack',t);perg.append((est,np.concatenate(rep),*accel(J,m)))
    t=time.perf_counter()
    if G==1: est,rep,num,den=perg[0]
    else:
        bs=slice(0,p);est=[q[0][bs] for q in perg];rep=[q[1][:,bs] for q in perg];num=[q[2][bs] for q in perg];den=[q[3][bs] for q in perg];s=slice(1,p)
        for i in range(G):
            for j in range(i+1,G):
                est.append(perg[i][0][s]-perg[j][0][s]);rep.append(perg[i][1][:,s]-perg[j][1][:,s]);num.append(perg[i][2][s]-perg[j][2][s]);den.append(perg[i][3][s]+perg[j][3][s])
        est=np.concatenate(est);rep=np.concatenate(rep,1);num=np.concatenate(num);den=np.concatenate(den)
    lo,hi=bca(est,rep,num/(6*den**1.5));tick('bca',t)
    return np.stack([est,lo,hi],1)
def fit_naive(Dm):
    Xm=Dm[:,:p];ym=Dm[:,p];r2=[];tss=((ym-ym.mean())**2).sum()
    for e in ends:
        b=np.linalg.lstsq(Xm[:,:e],ym,rcond=None)[0];r=ym-Xm[:,:e]@b;r2.append(1-r@r/tss)
    Z=Dm.copy();Z[:,1:p-1]=(Xm[:,1:p-1]-Xm[:,1:p-1].mean(0))/Xm[:,1:p-1].std(0,ddof=1);Z[:,p-1]=Z[:,ia]*Z[:,ib];zy=(ym-ym.mean())/ym.std(ddof=1)
    be=np.linalg.lstsq(Z[:,:p],zy,rcond=None)[0][1:]
    return np.concatenate([b,be,r2,np.diff(r2)])
def naive():
    T.clear();rng=np.random.default_rng(1);o=0;perg=[]
    for g in range(G):
        m=gs[g];Dg=D[o:o+m];o+=m;t=time.perf_counter();rep=[]
        for s in range(B):
            idx=shared_idx(np.array([s+g*B]),m)[0] if A.shared else rng.integers(0,m,m)
            rep.append(fit_naive(Dg[idx]))
        tick('boot',t);t=time.perf_counter()
        J=jack(Dg) if A.nojack else np.array([fit_naive(np.delete(Dg,i,0)) for i in range(m)])
        tick('jack',t);perg.append((fit_naive(Dg),np.array(rep),*accel(J,m)))
    if G>1: return perg
    t=time.perf_counter();est,rep,num,den=perg[0];lo,hi=bca(est,rep,num/(6*den**1.5));tick('bca',t);return np.stack([est,lo,hi],1)
f=smart if A.mode=='smart' else naive
for _ in range(A.reps):
    t=time.perf_counter();R=f();ms=(time.perf_counter()-t)*1e3
    print(json.dumps(dict(impl='numpy-'+A.mode,w=A.w,B=B,ms=round(ms,1),phases={k:round(v*1e3,1) for k,v in T.items()})),flush=True)
if A.dump: json.dump(np.asarray(R).tolist(),open(A.dump,'w'))
